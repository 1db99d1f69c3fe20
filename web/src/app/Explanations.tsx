import Paper from '@mui/material/Paper';
import Popper from '@mui/material/Popper';
import { useEffect, useState } from 'react';

const AFTER = 500;
const HELD = 450;
const CONTROL = 'button, a, input, select, textarea, label, [role=button], [role=slider], [role=switch], [role=grid]';

interface Shown {
  at: HTMLElement;
  text: string;
}

/** What explains an element: its own title, or that of what it stands in. */
function explained(target: EventTarget | null): Shown | null {
  const at = target instanceof Element ? target.closest<HTMLElement>('[title]') : null;
  return at?.title ? { at, text: at.title } : null;
}

/** Explanations that a mouse finds by resting, for who uses keys or fingers: shown where the focus comes to, where a finger rests, and where it taps on what is no button. Escape puts one away. */
export function Explanations() {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    let timer = 0;
    let held = false;
    const hide = () => {
      window.clearTimeout(timer);
      setShown(null);
    };
    const soon = (target: EventTarget | null, after: number) => {
      window.clearTimeout(timer);
      const found = explained(target);
      if (!found) return;
      timer = window.setTimeout(() => {
        held = true;
        setShown(found);
      }, after);
    };
    const onFocus = ({ target }: FocusEvent) => {
      hide();
      if (target instanceof Element && target.matches(':focus-visible')) soon(target, AFTER);
    };
    const onDown = ({ target, pointerType }: PointerEvent) => {
      hide();
      held = false;
      if (pointerType === 'touch') soon(target, HELD);
    };
    const onUp = ({ target, pointerType }: PointerEvent) => {
      if (pointerType !== 'touch' || held) return;
      window.clearTimeout(timer);
      if (target instanceof Element && !target.closest(CONTROL)) setShown(explained(target));
    };
    const onKey = ({ key }: KeyboardEvent) => {
      if (key === 'Escape') hide();
    };
    const all: readonly (readonly [string, (event: never) => void])[] = [
      ['focusin', onFocus],
      ['focusout', hide],
      ['pointerdown', onDown],
      ['pointerup', onUp],
      ['pointercancel', hide],
      ['keydown', onKey],
      ['wheel', hide],
    ];
    for (const [name, heard] of all) document.addEventListener(name, heard as EventListener, { passive: true });
    return () => {
      window.clearTimeout(timer);
      for (const [name, heard] of all) document.removeEventListener(name, heard as EventListener);
    };
  }, []);
  return (
    <Popper
      open={shown !== null}
      anchorEl={shown?.at ?? null}
      placement="bottom-start"
      sx={{ zIndex: 'tooltip', pointerEvents: 'none' }}>
      <Paper
        elevation={3}
        sx={{ px: 1.2, py: 0.6, mt: 0.5, maxWidth: 320, fontSize: '0.9rem', border: 1, borderColor: 'wire' }}>
        {shown?.text}
      </Paper>
    </Popper>
  );
}
