import { NewProjectScreen } from '../forms';

export default function NewProjectRoute() {
  return <NewProjectScreen />;
}
