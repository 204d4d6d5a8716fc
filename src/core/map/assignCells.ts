// Places in the plane → cells of a grid, each at most once: the plane is halved again and again, each half with as many places as its
// cells hold, along the longer side of what is left of the grid. Neighbours stay neighbours; nothing overlaps.

export type GridSize = { columns: number; rows: number };
type Area = { left: number; top: number; columns: number; rows: number };

/** @param places - x, y of each. @returns the cell of each, row by row. The grid must have a cell for every place. */
export function assignCells(places: Float64Array, { columns, rows }: GridSize): Int32Array {
  const cells = new Int32Array(places.length / 2);
  const split = (members: Int32Array, area: Area) => {
    if (!members.length) return;
    if (members.length === 1 && area.columns === 1 && area.rows === 1) {
      cells[members[0]!] = area.top * columns + area.left;
      return;
    }
    const isWide = area.columns >= area.rows;
    const axis = isWide ? 0 : 1;
    // Equal places stand in the order of the list: the same for the same library.
    members.sort((a, b) => places[a * 2 + axis]! - places[b * 2 + axis]! || a - b);
    const [first, second] = halve(area, isWide);
    const room = first.columns * first.rows;
    const share = Math.round((members.length * room) / (area.columns * area.rows));
    const left = members.length - second.columns * second.rows;
    const count = Math.min(room, Math.max(left, share, 0));
    split(members.slice(0, count), first);
    split(members.slice(count), second);
  };
  split(Int32Array.from(cells.keys()), { left: 0, top: 0, columns, rows });
  return cells;
}

function halve({ left, top, columns, rows }: Area, isWide: boolean): [Area, Area] {
  if (isWide) {
    const half = Math.ceil(columns / 2);
    return [
      { left, top, columns: half, rows },
      { left: left + half, top, columns: columns - half, rows },
    ];
  }
  const half = Math.ceil(rows / 2);
  return [
    { left, top, columns, rows: half },
    { left, top: top + half, columns, rows: rows - half },
  ];
}
