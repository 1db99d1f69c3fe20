import './marks.css';

interface Props {
  /** 0 to 100. */
  grade: number;
  /** One figure among several: not as heavy. */
  plain?: boolean;
}

/** The line under a figure, as far as it goes. */
export const underline = (grade: number) => ({ backgroundSize: `${length(grade)} 3px` });

const length = (value: number): string => `${Math.min(100, Math.max(0, value))}%`;

/** A grade as a figure, underlined as far as it goes. One element: a sheet holds hundreds. */
export const GradeFigure = ({ grade, plain = false }: Props) => (
  <span className={plain ? 'figure plain' : 'figure'} style={underline(grade)}>
    {Math.round(grade)}
  </span>
);

/** A bar of 0 to 100, for the eye only. */
export const Bar = ({ value, width }: { value: number; width: number | string }) => (
  <span
    aria-hidden
    className="bar"
    style={{ '--w': typeof width === 'number' ? `${width}px` : width, '--v': length(value) } as object}
  />
);
