/** How a page made for paper looks. */
export const PAPER = {
  bgcolor: '#fff',
  color: '#1b141a',
  maxWidth: 820,
  mx: 'auto',
  p: 4,
  '& th': { textAlign: 'left', fontWeight: 600, pr: 2, py: 0.4, verticalAlign: 'top' },
  '& td': { pr: 2, py: 0.4, verticalAlign: 'top', overflowWrap: 'anywhere' },
  '& table': { borderCollapse: 'collapse', width: '100%' },
  '& tbody tr': { borderTop: '1px solid #ccc' },
  '@media print': { p: 0, maxWidth: 'none' },
} as const;
