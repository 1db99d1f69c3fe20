import { createSvgIcon } from '@mui/material/utils';

/** A grower's tag on its string: kept when filled. */
export const TagIcon = createSvgIcon(
  <path d="M12 2v3m-5 3a1 1 0 0 1 1-1h8a1 1 0 0 1 1 1v9l-5 4-5-4z m5 1.2a1.3 1.3 0 1 0 0 2.6 1.3 1.3 0 0 0 0-2.6z" fill="none" stroke="currentColor" strokeWidth="1.6" strokeLinejoin="round" />,
  'Tag',
);
export const TagFilledIcon = createSvgIcon(
  <path d="M11.2 1.5h1.6V7H16a1 1 0 0 1 1 1v9l-5 4-5-4V8a1 1 0 0 1 1-1h3.200z M12 9a1.5 1.5 0 1 0 0 3 1.5 1.5 0 0 0 0-3z" fillRule="evenodd" />,
  'TagFilled',
);
const line = (d: string, name: string) =>
  createSvgIcon(<path d={d} fill="none" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" strokeLinejoin="round" />, name);

export const CrossIcon = line('M6 6l12 12M18 6L6 18', 'Cross');
export const UpIcon = line('M6 15l6-6 6 6', 'Up');
export const DownIcon = line('M6 9l6 6 6-6', 'Down');
export const UndoIcon = line('M9 7L4 12l5 5M4 12h10a5 5 0 0 1 0 10h-2', 'Undo');
export const MoonIcon = line('M20 14.500A8 8 0 1 1 9.500 4a6.500 6.500 0 0 0 10.500 10.500z', 'Moon');
export const SunIcon = line('M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8zM12 2v2M12 20v2M2 12h2M20 12h2M5 5l1.400 1.400M17.600 17.600L19 19M5 19l1.400-1.400M17.600 6.400L19 5', 'Sun');
export const HelpIcon = line('M9 9a3 3 0 1 1 4.500 2.600c-1 .6-1.500 1.100-1.500 2.400M12 17.500v.1', 'Help');
