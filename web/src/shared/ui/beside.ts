/** Fields beside each other, each so many pixels at the least: as many as there is room for. */
export const beside = (px: number) =>
  ({ gap: 1, rowGap: 1.6, flexWrap: 'wrap', '& > *': { flex: `1 1 ${px}px` } }) as const;
