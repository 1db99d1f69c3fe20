import { createSvgIcon } from '@mui/material/utils';

/** A grower's tag on its string: kept when filled. */
export const TagIcon = createSvgIcon(
  <path
    d="M12 1v6M12 6l5.5 4.500V21h-11V10.500zM12 9.700v.1"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.7"
    strokeLinejoin="round"
    strokeLinecap="round"
  />,
  'Tag',
);
export const TagFilledIcon = createSvgIcon(
  <path
    d="M11.2 1h1.600v4.600l5.6 4.500V22H5.600V10.100l5.6-4.500zM12 8.600a1.6 1.6 0 1 0 0 3.2 1.6 1.6 0 0 0 0-3.200z"
    fillRule="evenodd"
  />,
  'TagFilled',
);
const line = (d: string, name: string) =>
  createSvgIcon(
    <path d={d} fill="none" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" strokeLinejoin="round" />,
    name,
  );

export const CrossIcon = line('M6 6l12 12M18 6L6 18', 'Cross');
export const WatchIcon = line(
  'M2.500 12C5 7.500 8.300 5.500 12 5.500s7 2 9.500 6.500c-2.500 4.500-5.800 6.500-9.500 6.500s-7-2-9.500-6.500zM12 9.200a2.8 2.8 0 1 0 0 5.600 2.8 2.8 0 0 0 0-5.600z',
  'Watch',
);
export const BellIcon = line('M6 17V11a6 6 0 0 1 12 0v6l1.500 2h-15zM10 21.500h4M12 5V3', 'Bell');
export const UpIcon = line('M6 15l6-6 6 6', 'Up');
export const DownIcon = line('M6 9l6 6 6-6', 'Down');
export const UndoIcon = line('M9 7L4 12l5 5M4 12h10a5 5 0 0 1 0 10h-2', 'Undo');
export const RedoIcon = line('M15 7l5 5-5 5M20 12H10a5 5 0 0 0 0 10h2', 'Redo');
export const MoonIcon = line('M20 14.500A8 8 0 1 1 9.5 4a6.5 6.5 0 0 0 10.5 10.500z', 'Moon');
export const SunIcon = line(
  'M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8zM12 2v2M12 20v2M2 12h2M20 12h2M5 5l1.4 1.400M17.6 17.600L19 19M5 19l1.4-1.400M17.6 6.400L19 5',
  'Sun',
);
export const CautionIcon = line('M12 4L3 20h18L12 4zM12 10v5M12 17.500v.1', 'Caution');
export const HelpIcon = line('M9 9a3 3 0 1 1 4.5 2.600c-1 .6-1.5 1.1-1.5 2.400M12 17.500v.1', 'Help');
export const SpeakIcon = line('M4 10v4h4l5 4V6L8 10H4zM16.5 9a4 4 0 0 1 0 6M19 6.500a8 8 0 0 1 0 11', 'Speak');
export const DotsIcon = createSvgIcon(
  <path d="M5 10.200a1.8 1.8 0 1 0 0 3.600 1.8 1.8 0 0 0 0-3.600zm7 0a1.8 1.8 0 1 0 0 3.600 1.8 1.8 0 0 0 0-3.600zm7 0a1.8 1.8 0 1 0 0 3.600 1.8 1.8 0 0 0 0-3.600z" />,
  'Dots',
);
