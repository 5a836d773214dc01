import { Type } from './Type';

/** What is wrong with what stands above it; nothing where nothing is. */
export function Trouble({ text }: { text: string | undefined }) {
  if (!text) return null;
  return (
    <Type look="small" tone="accent" role="alert">
      {text}
    </Type>
  );
}
