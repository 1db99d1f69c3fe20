import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  children?: ReactNode;
  action?: ReactNode;
  /** Announce it at once: for failures. */
  alert?: boolean;
}

/** What stands where there is nothing to show: why, and what to do next. */
export function EmptyState({ title, children, action, alert = false }: Props) {
  return (
    <Stack
      role={alert ? 'alert' : undefined}
      sx={{
        alignItems: 'center',
        textAlign: 'center',
        gap: 1.2,
        px: 3,
        py: 6,
        maxWidth: 460,
        mx: 'auto',
        flexGrow: 1,
      }}>
      <Typography variant="h3" component="p">
        {title}
      </Typography>
      {children && <Typography color="textSecondary">{children}</Typography>}
      {action}
    </Stack>
  );
}
