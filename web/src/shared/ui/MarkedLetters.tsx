import Box from '@mui/material/Box';

interface Props {
  text: string;
  start: number;
  end: number;
}

/** A name with the letters that are spoken of marked; nothing when it is all of them. */
export function MarkedLetters({ text, start, end }: Props) {
  if (end - start >= text.length || start >= end) return null;
  return (
    <Box component="span" className="serif" aria-hidden sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
      {text.slice(0, start)}
      <Box
        component="mark"
        sx={{
          bgcolor: 'transparent',
          color: 'text.primary',
          fontWeight: 600,
          borderBottom: 2,
          borderColor: 'amber',
        }}>
        {text.slice(start, end)}
      </Box>
      {text.slice(end)}{' '}
    </Box>
  );
}
