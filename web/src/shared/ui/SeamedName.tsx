import './marks.css';

interface Props {
  label: string;
  /** Where each part begins, from 0. */
  starts: readonly number[];
}

/** A name whose seams show: the parts take turns between two weights. Plain elements: a sheet holds hundreds. */
export function SeamedName({ label, starts }: Props) {
  const cuts = [...new Set([0, ...starts])].filter((s) => s < label.length).sort((a, b) => a - b);
  return (
    <span className="serif">
      {cuts.map((start, i) => <span key={start} className={i % 2 ? 'seam other' : 'seam'}>{label.slice(start, cuts[i + 1])}</span>)}
    </span>
  );
}
