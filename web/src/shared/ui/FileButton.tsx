import Button from '@mui/material/Button';
import { type ReactNode, useRef } from 'react';

interface Props {
  /** What the button says. */
  children: ReactNode;
  /** What kind of file is meant, for who does not see the button. */
  label: string;
  /** Endings and media types. */
  accept: string;
  onFile: (file: File) => void;
  disabled?: boolean;
  size?: 'small' | 'medium';
}

/** A button that has a file chosen; the same one can be chosen again. */
export function FileButton({ children, label, accept, onFile, disabled = false, size = 'small' }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="outlined" size={size} disabled={disabled} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(e) => {
          const [chosen] = e.target.files ?? [];
          e.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
    </>
  );
}
