import {
  mdiAlertOctagonOutline,
  mdiArrowLeft,
  mdiCameraOutline,
  mdiChartTimelineVariant,
  mdiCheck,
  mdiChevronRight,
  mdiClose,
  mdiCogOutline,
  mdiDownload,
  mdiEarHearing,
  mdiKeyboardOutline,
  mdiMagnify,
  mdiPlus,
  mdiShareVariantOutline,
  mdiTrayArrowUp,
} from '@mdi/js';
import Svg, { Path } from 'react-native-svg';
import type { IconProps } from 'react-native-paper/lib/typescript/components/MaterialCommunityIcon';

/** The icons that are used, drawn as paths: no icon font is shipped. */
const paths = {
  alert: mdiAlertOctagonOutline,
  back: mdiArrowLeft,
  camera: mdiCameraOutline,
  chart: mdiChartTimelineVariant,
  check: mdiCheck,
  forward: mdiChevronRight,
  close: mdiClose,
  settings: mdiCogOutline,
  download: mdiDownload,
  listen: mdiEarHearing,
  find: mdiMagnify,
  keyboard: mdiKeyboardOutline,
  add: mdiPlus,
  share: mdiShareVariantOutline,
  upload: mdiTrayArrowUp,
} as const;

export type IconName = keyof typeof paths;

export function Icon({ name, size, color }: { name: IconName; size: number; color: string }) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={paths[name]} fill={color} />
    </Svg>
  );
}

/** Paper's own components ask for icons by name. */
export function PaperIcon({ name, color, size }: IconProps) {
  return name in paths ? <Icon name={name as IconName} size={size} color={color ?? 'currentColor'} /> : null;
}
