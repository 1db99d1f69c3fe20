import './marks.css';

interface Props {
  label: string;
  /** As a person writes it, where that differs; it has no seams then. */
  shown?: string;
  /** Where each part begins, from 0. */
  starts: readonly number[];
  /** Set apart behind it. */
  extension?: string | undefined;
  className?: string;
  title?: string;
}

const JOINT = 3;

/** Classes of the parts in turn; a little word between two others ("and", "the") only joins them. */
function weights(lengths: readonly number[]): string[] {
  let turn = 0;
  return lengths.map((length, i) => {
    if (length <= JOINT && i > 0 && i < lengths.length - 1) return 'seam joint';
    turn += 1;
    return turn % 2 ? 'seam' : 'seam other';
  });
}

/** A name whose seams show: the parts take turns between two weights. Plain elements: a sheet holds hundreds. */
export function SeamedName({ label, shown = label, starts, extension, className, title }: Props) {
  const cuts = [...new Set([0, ...starts])].filter((s) => s < label.length).sort((a, b) => a - b);
  const classes = weights(cuts.map((start, i) => (cuts[i + 1] ?? label.length) - start));
  return (
    <span className={className ? `serif ${className}` : 'serif'} title={title}>
      {shown === label
        ? cuts.map((start, i) => (
            <span key={start} className={classes[i]}>
              {label.slice(start, cuts[i + 1])}
            </span>
          ))
        : shown}
      {extension && <span className="extension">.{extension}</span>}
    </span>
  );
}
