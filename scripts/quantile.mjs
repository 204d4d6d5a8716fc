/** The value below which a share of a list lies. */
export const quantile = (list, q) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
