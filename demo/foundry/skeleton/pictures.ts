// Picture fonts: signs of sea, rail and weather, drawn in a square of 700 units with one pen. Letters a, b, c … reach them.
import type { Design } from "../design";
import { ellipse, polygon } from "../pen";
import { box, Sketch, type Drawing } from "../sketch";

type Paint = (g: Sketch) => void;
const SIZE = 700;
const round = { start: "round", end: "round" } as const;

/** Polyline with round ends. */
function line(g: Sketch, ...points: [number, number][]) {
  const path = g.path(...points[0]!);
  for (const [x, y] of points.slice(1)) path.line(x, y);
  g.put(path, round);
}
const solid = (g: Sketch, ...points: [number, number][]) => void g.solids.push(polygon(points));
const disc = (g: Sketch, x: number, y: number, r: number) => void g.solids.push(ellipse(x, y, r, r));
const hole = (g: Sketch, x: number, y: number, r: number) => void g.cuts.push(ellipse(x, y, r, r));
const slab = (g: Sketch, x0: number, y0: number, x1: number, y1: number) => void g.solids.push(box(x0, y0, x1, y1));
const gap = (g: Sketch, x0: number, y0: number, x1: number, y1: number) => void g.cuts.push(box(x0, y0, x1, y1));
const circle = (g: Sketch, x: number, y: number, r: number) => void g.ring(x, y, r, r);
function wave(g: Sketch, y: number, x0 = 40, x1 = 660, high = 60, count = 3) {
  const step = (x1 - x0) / count;
  const path = g.path(x0, y);
  for (let k = 0; k < count; k++) {
    const x = x0 + k * step;
    path.curve(x + step * 0.25, y + high, x + step * 0.25, y + high, x + step * 0.5, y);
    path.curve(x + step * 0.75, y - high, x + step * 0.75, y - high, x + step, y);
  }
  g.put(path, round);
}
const rays = (g: Sketch, x: number, y: number, from: number, to: number, count: number, start = 0) => {
  for (let k = 0; k < count; k++) {
    const a = start + (k * 2 * Math.PI) / count;
    line(g, [x + Math.cos(a) * from, y + Math.sin(a) * from], [x + Math.cos(a) * to, y + Math.sin(a) * to]);
  }
};
function cloud(g: Sketch, y = 300) {
  disc(g, 210, y + 60, 120);
  disc(g, 370, y + 140, 160);
  disc(g, 520, y + 50, 110);
  slab(g, 210, y - 60, 520, y + 80);
}
const wheel = (g: Sketch, x: number, r = 70) => (disc(g, x, r, r), hole(g, x, r, r * 0.45));

export const SEA: Paint[] = [
  // Lighthouse, anchor, boat, fish, buoy, wheel, shell, waves, bell, lamp, gull, rope knot, crab, compass, oar, island
  (g) => (
    solid(g, [240, 0], [460, 0], [410, 440], [290, 440]),
    slab(g, 260, 470, 440, 510),
    slab(g, 290, 510, 410, 610),
    solid(g, [260, 620], [440, 620], [350, 700]),
    gap(g, 230, 140, 470, 190),
    gap(g, 230, 290, 470, 335),
    gap(g, 335, 530, 365, 590)
  ),
  (g) => (
    circle(g, 350, 600, 70),
    line(g, [350, 530], [350, 40]),
    line(g, [210, 440], [490, 440]),
    g.put(g.path(70, 260).over(350, 30).down(630, 260), round),
    solid(g, [20, 220], [130, 220], [60, 330]),
    solid(g, [570, 220], [680, 220], [640, 330])
  ),
  (g) => (
    solid(g, [50, 200], [650, 200], [540, 60], [150, 60]),
    solid(g, [330, 240], [330, 680], [80, 240]),
    solid(g, [370, 240], [370, 600], [620, 240])
  ),
  (g) => (
    g.solids.push(ellipse(300, 350, 250, 150)),
    solid(g, [500, 350], [680, 500], [680, 200]),
    hole(g, 170, 390, 32),
    gap(g, 270, 250, 295, 450)
  ),
  (g) => (
    solid(g, [210, 150], [490, 150], [420, 470], [280, 470]),
    slab(g, 120, 60, 580, 150),
    disc(g, 350, 570, 60),
    slab(g, 330, 470, 370, 540),
    gap(g, 200, 260, 500, 310)
  ),
  (g) => (circle(g, 350, 350, 200), circle(g, 350, 350, 70), rays(g, 350, 350, 70, 320, 8)),
  (g) => (
    solid(g, [350, 40], [640, 430], [560, 590], [350, 650], [140, 590], [60, 430]),
    [-2, -1, 0, 1, 2].forEach((k) =>
      g.cuts.push(
        polygon([
          [346, 90],
          [354, 90],
          [354 + k * 95 + 12, 600 - Math.abs(k) * 45],
          [346 + k * 95 - 12, 600 - Math.abs(k) * 45],
        ]),
      ),
    )
  ),
  (g) => (wave(g, 520), wave(g, 350), wave(g, 180)),
  (g) => (
    g.put(g.path(150, 180).curve(230, 260, 190, 560, 350, 580).curve(510, 560, 470, 260, 550, 180), round),
    line(g, [110, 160], [590, 160]),
    disc(g, 350, 80, 60),
    disc(g, 350, 640, 46)
  ),
  (g) => (
    slab(g, 220, 40, 480, 110),
    slab(g, 220, 480, 480, 540),
    line(g, [250, 110], [250, 480]),
    line(g, [450, 110], [450, 480]),
    solid(g, [260, 560], [440, 560], [350, 640]),
    g.solids.push(ellipse(350, 270, 52, 100)),
    circle(g, 350, 670, 30)
  ),
  (g) => (
    g.put(g.path(40, 360).curve(140, 560, 280, 560, 350, 380).curve(420, 560, 560, 560, 660, 360), round),
    disc(g, 350, 350, 62)
  ),
  (g) => (circle(g, 250, 350, 170), circle(g, 450, 350, 170)),
  (g) => (
    g.solids.push(ellipse(350, 280, 210, 140)),
    line(g, [180, 360], [80, 500]),
    line(g, [520, 360], [620, 500]),
    circle(g, 110, 570, 60),
    circle(g, 590, 570, 60),
    [0, 1, 2].forEach(
      (k) => (
        line(g, [200 + k * 20, 200 - k * 20], [90 + k * 60, 70]),
        line(g, [500 - k * 20, 200 - k * 20], [610 - k * 60, 70])
      ),
    )
  ),
  (g) => (circle(g, 350, 350, 290), solid(g, [350, 590], [410, 350], [290, 350]), line(g, [350, 330], [350, 130])),
  (g) => (
    line(g, [140, 120], [520, 500]),
    g.solids.push(ellipse(560, 540, 110, 110)),
    solid(g, [480, 600], [620, 460], [680, 680])
  ),
  (g) => (
    solid(g, [60, 180], [640, 180], [520, 260], [180, 260]),
    line(g, [350, 250], [390, 520]),
    g.solids.push(ellipse(470, 540, 120, 42)),
    g.solids.push(ellipse(300, 560, 120, 42)),
    wave(g, 90, 40, 660, 45, 4)
  ),
];

export const RAIL: Paint[] = [
  // Engine, carriage, signal, switch, crossing, clock, ticket, bridge, tunnel, rails, lamp, whistle, platform, buffer, water crane, key
  (g) => (
    slab(g, 60, 140, 470, 400),
    slab(g, 430, 140, 640, 560),
    gap(g, 480, 400, 590, 500),
    slab(g, 120, 400, 200, 560),
    disc(g, 320, 420, 60),
    wheel(g, 160, 90),
    wheel(g, 360, 90),
    wheel(g, 560, 90)
  ),
  (g) => (
    slab(g, 40, 130, 660, 560),
    [0, 1, 2].forEach((k) => gap(g, 90 + k * 190, 330, 230 + k * 190, 490)),
    wheel(g, 170),
    wheel(g, 530)
  ),
  (g) => (
    line(g, [300, 40], [300, 660]),
    solid(g, [300, 620], [620, 660], [620, 550], [300, 510]),
    gap(g, 480, 540, 530, 660),
    disc(g, 300, 420, 55),
    slab(g, 200, 0, 400, 46)
  ),
  (g) => (
    line(g, [180, 60], [180, 640]),
    g.put(g.path(180, 120).curve(180, 360, 500, 360, 500, 640), round),
    line(g, [110, 60], [250, 60])
  ),
  (g) => (line(g, [120, 260], [580, 660]), line(g, [120, 660], [580, 260]), line(g, [350, 40], [350, 400])),
  (g) => (circle(g, 350, 350, 280), line(g, [350, 350], [350, 540]), line(g, [350, 350], [480, 290])),
  (g) => (
    slab(g, 50, 180, 650, 520),
    hole(g, 50, 350, 70),
    hole(g, 650, 350, 70),
    gap(g, 210, 400, 490, 440),
    gap(g, 210, 270, 430, 310)
  ),
  (g) => (
    slab(g, 20, 430, 680, 500),
    g.put(g.path(60, 60).over(350, 400).down(640, 60), round),
    [150, 250, 350, 450, 550].forEach((x) => line(g, [x, 430], [x, 340]))
  ),
  (g) => (
    g.solids.push(
      polygon([
        [60, 0],
        [640, 0],
        [640, 400],
        [520, 600],
        [350, 660],
        [180, 600],
        [60, 400],
      ]),
    ),
    g.cuts.push(
      polygon([
        [190, 0],
        [510, 0],
        [510, 320],
        [440, 440],
        [260, 440],
        [190, 320],
      ]),
    ),
    line(g, [280, 10], [330, 280]),
    line(g, [420, 10], [370, 280])
  ),
  (g) => (
    line(g, [140, 20], [280, 680]),
    line(g, [560, 20], [420, 680]),
    [0, 1, 2, 3, 4].forEach((k) => line(g, [130 + k * 32, 100 + k * 130], [570 - k * 32, 100 + k * 130]))
  ),
  (g) => (
    slab(g, 200, 120, 500, 480),
    hole(g, 350, 300, 95),
    slab(g, 260, 480, 440, 540),
    g.put(g.path(250, 540).over(350, 670).down(450, 540), round),
    slab(g, 160, 60, 540, 120)
  ),
  (g) => (circle(g, 230, 300, 170), slab(g, 220, 380, 640, 470), gap(g, 400, 420, 470, 470), disc(g, 230, 300, 60)),
  (g) => (
    slab(g, 20, 60, 680, 150),
    line(g, [140, 150], [140, 560]),
    line(g, [560, 150], [560, 560]),
    solid(g, [30, 540], [670, 540], [600, 640], [100, 640])
  ),
  (g) => (
    slab(g, 80, 60, 180, 600),
    slab(g, 180, 380, 420, 450),
    disc(g, 470, 415, 110),
    slab(g, 180, 160, 420, 220),
    disc(g, 470, 190, 80)
  ),
  (g) => (
    line(g, [200, 20], [200, 560]),
    g.put(g.path(200, 560).curve(220, 690, 520, 690, 540, 480), round),
    solid(g, [490, 480], [590, 480], [620, 340], [460, 340]),
    slab(g, 110, 0, 290, 60)
  ),
  (g) => (
    circle(g, 200, 350, 130),
    line(g, [330, 350], [650, 350]),
    line(g, [540, 340], [540, 240]),
    line(g, [630, 340], [630, 220])
  ),
];

export const WEATHER: Paint[] = [
  // Sun, cloud, rain, snow, fog, storm, wind, moon, star, umbrella, drop, thermometer, rainbow, hail, half sun, glass
  (g) => (disc(g, 350, 350, 140), rays(g, 350, 350, 210, 320, 8)),
  (g) => cloud(g),
  (g) => (cloud(g, 380), [190, 350, 510].forEach((x) => line(g, [x, 230], [x - 50, 60]))),
  (g) => rays(g, 350, 350, 0, 300, 6, Math.PI / 2),
  (g) => [130, 270, 410, 550].forEach((y, k) => line(g, [k % 2 ? 60 : 140, y], [k % 2 ? 560 : 640, y])),
  (g) => (cloud(g, 400), solid(g, [380, 310], [230, 130], [340, 130], [280, 0], [470, 200], [360, 200], [450, 310])),
  (g) => (
    g.put(
      g.path(40, 420).line(480, 420).curve(640, 420, 640, 640, 480, 640).curve(410, 640, 390, 590, 400, 550),
      round,
    ),
    g.put(g.path(40, 260).line(560, 260).curve(680, 260, 680, 80, 560, 80).curve(510, 80, 490, 110, 490, 140), round)
  ),
  (g) => (disc(g, 350, 350, 270), hole(g, 470, 440, 220)),
  (g) =>
    g.solids.push(
      polygon(
        Array.from({ length: 10 }, (_, k): [number, number] => {
          const a = Math.PI / 2 + (k * Math.PI) / 5;
          const r = k % 2 ? 130 : 320;
          return [350 + Math.cos(a) * r, 340 + Math.sin(a) * r];
        }),
      ),
    ),
  (g) => (
    g.solids.push(
      polygon([
        [40, 350],
        [120, 540],
        [350, 640],
        [580, 540],
        [660, 350],
      ]),
    ),
    g.put(g.path(350, 350).line(350, 120).over(280, 50).down(210, 120), round)
  ),
  (g) =>
    g.solids.push({
      start: { x: 350, y: 680 },
      curves: [
        [
          { x: 250, y: 480 },
          { x: 140, y: 380 },
          { x: 140, y: 230 },
        ],
        [
          { x: 140, y: 100 },
          { x: 230, y: 20 },
          { x: 350, y: 20 },
        ],
        [
          { x: 470, y: 20 },
          { x: 560, y: 100 },
          { x: 560, y: 230 },
        ],
        [
          { x: 560, y: 380 },
          { x: 450, y: 480 },
          { x: 350, y: 680 },
        ],
      ],
    }),
  (g) => (
    disc(g, 350, 140, 120),
    slab(g, 300, 140, 400, 640),
    disc(g, 350, 640, 50),
    gap(g, 335, 300, 365, 640),
    [400, 500, 600].forEach((y) => line(g, [450, y], [530, y]))
  ),
  (g) =>
    [280, 200, 120].forEach((r) =>
      g.put(
        g
          .path(350 - r, 160)
          .over(350, 160 + r)
          .down(350 + r, 160),
        round,
      ),
    ),
  (g) => (cloud(g, 400), [180, 300, 420, 540].forEach((x, k) => disc(g, x, k % 2 ? 80 : 210, 38))),
  (g) => (
    g.put(g.path(180, 160).over(350, 330).down(520, 160), round),
    line(g, [40, 130], [660, 130]),
    [-60, -30, 0, 30, 60].forEach((deg) => {
      const a = Math.PI / 2 + (deg * Math.PI) / 180;
      line(g, [350 + Math.cos(a) * 260, 160 + Math.sin(a) * 260], [350 + Math.cos(a) * 380, 160 + Math.sin(a) * 380]);
    })
  ),
  (g) => (
    circle(g, 350, 320, 260),
    line(g, [350, 320], [500, 450]),
    disc(g, 350, 320, 46),
    slab(g, 310, 580, 390, 680)
  ),
];

/** Letters and their small forms reach the same pictures. */
export function pictureDrawings(set: Paint[], d: Design): { char: string; drawing: Drawing }[] {
  return set.map((paint, k) => {
    const g = new Sketch({ ...d, serif: "none", terminal: "round" });
    paint(g);
    return { char: String.fromCharCode(97 + k), drawing: g.done(SIZE, 40, 40) };
  });
}
