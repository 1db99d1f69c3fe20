import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { createContext, type ReactNode, use, useCallback, useMemo, useState } from 'react';
import { t } from '../texts';

interface Notice {
  id: number;
  message: string;
  undo?: () => void;
}

type Notify = (message: string, undo?: () => void) => void;

const NotifyContext = createContext<Notify>(() => undefined);

/** Says something in passing, with a way to undo it where there is one. */
export const useNotify = (): Notify => use(NotifyContext);

export function Notices({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const notify = useCallback<Notify>((message, undo) => {
    setNotice({ id: Date.now() + Math.random(), message, ...(undo && { undo }) });
  }, []);
  const close = () => {
    setNotice(null);
  };
  const action = useMemo(
    () =>
      notice?.undo && (
        <Button
          size="small"
          color="inherit"
          sx={{ textDecoration: 'underline' }}
          onClick={() => {
            notice.undo?.();
            setNotice(null);
          }}>
          {t('Undo')}
        </Button>
      ),
    [notice],
  );
  return (
    <NotifyContext value={notify}>
      {children}
      <Snackbar
        key={notice?.id}
        open={notice !== null}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
        message={notice?.message}
        action={action}
        autoHideDuration={notice?.undo ? 9000 : 5000}
        onClose={(_, reason) => {
          if (reason !== 'clickaway') close();
        }}
      />
    </NotifyContext>
  );
}
