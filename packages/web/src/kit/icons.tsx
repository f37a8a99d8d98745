import { SvgIcon, type SvgIconProps } from '@mui/material';
import {
  mdiArrowAll,
  mdiArrowCollapseVertical,
  mdiArrowRight,
  mdiBatteryCharging,
  mdiStar,
  mdiStarOutline,
  mdiBellOutline,
  mdiBlur,
  mdiCallSplit,
  mdiChartLineVariant,
  mdiChartTimelineVariant,
  mdiChevronLeft,
  mdiChevronRight,
  mdiClose,
  mdiContentCopy,
  mdiCropFree,
  mdiCropLandscape,
  mdiCubeOutline,
  mdiCubeScan,
  mdiDotsVertical,
  mdiEyeOffOutline,
  mdiEyeOutline,
  mdiFlare,
  mdiFolderOutline,
  mdiGesture,
  mdiGradientHorizontal,
  mdiGrid,
  mdiHelpCircle,
  mdiLayersOutline,
  mdiLightningBoltOutline,
  mdiLinkVariant,
  mdiLogin,
  mdiMagnify,
  mdiMenuDown,
  mdiPause,
  mdiPin,
  mdiPlay,
  mdiPlus,
  mdiRadar,
  mdiRayVertex,
  mdiRedo,
  mdiSwapHorizontal,
  mdiTrashCanOutline,
  mdiTrayArrowDown,
  mdiTrayArrowUp,
  mdiTune,
  mdiUndo,
  mdiViewModuleOutline,
  mdiVolumeHigh,
  mdiVolumeOff,
  mdiWaves,
  mdiWeatherNight,
  mdiWhiteBalanceSunny,
} from '@mdi/js';
import type { ComponentType } from 'react';

/** An icon of the size and colour of what it stands in. */
const icon =
  (path: string): ComponentType<SvgIconProps> =>
  (props) => (
    <SvgIcon {...props}>
      <path d={path} />
    </SvgIcon>
  );

export const Add = icon(mdiPlus);
export const Apps = icon(mdiGrid);
export const ArrowDropDown = icon(mdiMenuDown);
export const Bell = icon(mdiBellOutline);
export const Blur = icon(mdiGradientHorizontal);
export const BlurOn = icon(mdiBlur);
export const Bolt = icon(mdiLightningBoltOutline);
export const BothWays = icon(mdiSwapHorizontal);
export const Box = icon(mdiCubeScan);
export const CallSplit = icon(mdiCallSplit);
export const ChevronLeft = icon(mdiChevronLeft);
export const ChevronRight = icon(mdiChevronRight);
export const Close = icon(mdiClose);
export const ContentCopy = icon(mdiContentCopy);
export const Crop = icon(mdiCropLandscape);
export const Day = icon(mdiWhiteBalanceSunny);
export const Delete = icon(mdiTrashCanOutline);
export const Download = icon(mdiTrayArrowDown);
export const East = icon(mdiArrowRight);
export const Folder = icon(mdiFolderOutline);
export const Fronts = icon(mdiWaves);
export const Gesture = icon(mdiGesture);
export const Guide = icon(mdiLogin);
export const Help = icon(mdiHelpCircle);
export const Inventory = icon(mdiCubeOutline);
export const Layers = icon(mdiLayersOutline);
export const LinearScale = icon(mdiRayVertex);
export const Link = icon(mdiLinkVariant);
export const Load = icon(mdiArrowCollapseVertical);
export const Moment = icon(mdiFlare);
export const MoreVert = icon(mdiDotsVertical);
export const Night = icon(mdiWeatherNight);
export const OpenWith = icon(mdiArrowAll);
export const Pause = icon(mdiPause);
export const PlayArrow = icon(mdiPlay);
export const PushPin = icon(mdiPin);
export const Radar = icon(mdiRadar);
export const Redo = icon(mdiRedo);
export const Search = icon(mdiMagnify);
export const SectionGlyph = icon(mdiCropFree);
export const Star = icon(mdiStar);
export const StarOutline = icon(mdiStarOutline);
export const Stored = icon(mdiBatteryCharging);
export const Timeline = icon(mdiChartTimelineVariant);
export const Tune = icon(mdiTune);
export const Undo = icon(mdiUndo);
export const Upload = icon(mdiTrayArrowUp);
export const ViewModule = icon(mdiViewModuleOutline);
export const Visibility = icon(mdiEyeOutline);
export const VisibilityOff = icon(mdiEyeOffOutline);
export const VolumeOff = icon(mdiVolumeOff);
export const VolumeUp = icon(mdiVolumeHigh);
export const Wire = icon(mdiChartLineVariant);
