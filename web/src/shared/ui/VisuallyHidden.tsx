import './marks.css';
import type { ReactNode } from 'react';

/** Text for screen readers alone. */
export const VisuallyHidden = ({ children }: { children: ReactNode }) => <span className="unseen">{children}</span>;
