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

/** A name whose seams show: the parts take turns between two weights. Plain elements: a sheet holds hundreds. */
export function SeamedName({ label, shown = label, starts, extension, className, title }: Props) {
  const cuts = [...new Set([0, ...starts])].filter((s) => s < label.length).sort((a, b) => a - b);
  return (
    <span className={className ? `serif ${className}` : 'serif'} title={title}>
      {shown === label ? cuts.map((start, i) => <span key={start} className={i % 2 ? 'seam other' : 'seam'}>{label.slice(start, cuts[i + 1])}</span>) : shown}
      {extension && <span className="extension">.{extension}</span>}
    </span>
  );
}
