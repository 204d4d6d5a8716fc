// Lit scenes for POV-Ray: lettering on a mug, on a sign seen from the side, raised, pressed, on cloth, glowing. Each is written twice from the same
// numbers: as it is seen, and with letters white on black, to know where the lettering stands.
export type Dice = { between: (a: number, b: number) => number; pick: <T>(list: readonly T[]) => T };

/** Lettering as POV-Ray's own text object. */
export type Lettering = { fontFile: string; text: string; widthEm: number };
export type Scene = (isMask: boolean) => string;

const rgb = ([r, g, b]: readonly number[]) => `rgb <${r!.toFixed(3)}, ${g!.toFixed(3)}, ${b!.toFixed(3)}>`;
const xyz = (...v: number[]) => `<${v.map((c) => c.toFixed(4)).join(", ")}>`;
const number = (v: number) => v.toFixed(4);

/** Colours that paint, enamel and stone have. */
const PAINTS = [
  [0.93, 0.91, 0.86], [0.12, 0.12, 0.13], [0.55, 0.09, 0.08], [0.08, 0.26, 0.45], [0.85, 0.65, 0.16], [0.1, 0.32, 0.2],
  [0.72, 0.7, 0.66], [0.45, 0.24, 0.12], [0.83, 0.42, 0.2], [0.3, 0.33, 0.37], [0.87, 0.78, 0.66], [0.62, 0.72, 0.78],
] as const; // oxfmt-ignore
const apart = (a: readonly number[], b: readonly number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)));

export function paints(d: Dice): [readonly number[], readonly number[]] {
  const ground = d.pick(PAINTS);
  const ink = d.pick(PAINTS.filter((p) => apart(p, ground) > 0.3));
  return [ink, ground];
}

/** A pigment of a stuff: plain, or with veins, grain or wood. */
function stuff(d: Dice, colour: readonly number[]): string {
  const other = colour.map((c) => Math.min(1, c * d.between(0.6, 1.3)));
  const scale = d.between(0.05, 0.8);
  const kind = d.pick(["plain", "plain", "granite", "bozo", "wood", "marble"] as const);
  if (kind === "plain") return `pigment { ${rgb(colour)} }`;
  return `pigment { ${kind} turbulence ${number(d.between(0, 0.5))} color_map { [0 ${rgb(colour)}] [0.6 ${rgb(colour)}] [1 ${rgb(other)}] } scale ${number(scale)} rotate ${xyz(0, d.between(0, 90), d.between(0, 90))} }`;
}

const finish = (d: Dice) =>
  `finish { ambient 0.06 diffuse ${number(d.between(0.6, 0.85))} specular ${number(d.pick([0, 0, 0.2, 0.6]))} roughness ${number(d.between(0.01, 0.1))} }`;
const bumps = (d: Dice) =>
  d.pick([
    "",
    "",
    `normal { bumps ${number(d.between(0.05, 0.4))} scale ${number(d.between(0.01, 0.1))} }`,
    `normal { wrinkles ${number(d.between(0.05, 0.3))} scale ${number(d.between(0.05, 0.4))} }`,
  ]);

const MASK = {
  ink: "pigment { rgb 1 } finish { ambient 0 diffuse 0 emission 1 }",
  other: "pigment { rgb 0 } finish { ambient 0 diffuse 0 emission 0 }",
};
const HEAD = `#version 3.7;\nglobal_settings { assumed_gamma 1.0 max_trace_level 4 }\n`;

/** A lamp or two: the first decides, the second fills. `grazing`: how far from the front the first stands, degrees. */
function lights(d: Dice, grazing: [number, number], isSoft = true): string {
  const [off, turn] = [(d.between(...grazing) * Math.PI) / 180, d.between(0, 2 * Math.PI)];
  const far = d.between(12, 40);
  const at = [
    Math.sin(off) * Math.cos(turn) * far,
    Math.abs(Math.sin(off) * Math.sin(turn)) * far + 0.5,
    -Math.cos(off) * far,
  ];
  const tint = d.pick([[1, 1, 1], [1, 0.92, 0.8], [0.88, 0.94, 1]]); // oxfmt-ignore
  const soft = d.pick(["", !isSoft ? "" : `area_light ${xyz(2.5, 0, 0)}, ${xyz(0, 2.5, 0)}, 3, 3 adaptive 0 jitter`]);
  const fill = d.between(0.12, 0.5);
  return `light_source { ${xyz(...at)} ${rgb(tint)} * ${number(d.between(0.8, 1.25))} ${soft} }
light_source { ${xyz(d.between(-20, 20), d.between(-5, 20), -25)} rgb ${number(fill)} shadowless }\n`;
}

/** A camera that looks at the middle of lettering so many units wide, from a side. Degrees. */
function camera(d: Dice, width: number, yaw: number, pitch: number): string {
  const [y, p] = [(yaw * Math.PI) / 180, (pitch * Math.PI) / 180];
  const angle = d.between(24, 55);
  const seen = Math.max(1.6, width * Math.cos(y) * d.between(1.25, 1.9));
  const far = Math.max(seen / (2 * Math.tan((angle * Math.PI) / 360)), 0.7 * width);
  const at = [Math.sin(y) * Math.cos(p) * far, Math.sin(p) * far, -Math.cos(y) * Math.cos(p) * far];
  return `camera { location ${xyz(...at)} right x*image_width/image_height look_at ${xyz(width * d.between(-0.04, 0.04), d.between(-0.2, 0.2), 0)} angle ${number(angle)} rotate ${xyz(0, 0, d.between(-4, 4))} }\n`;
}

/** The outline of the text about the origin, its face at z = 0, going `depth` towards +z. */
const textObject = (
  { fontFile, text }: Lettering,
  depth: number,
) => `#declare Raw = text { ttf "${fontFile}" "${text.replace(/["\\]/g, "\\$&")}" ${number(depth)}, 0 }
#declare Low = min_extent(Raw); #declare High = max_extent(Raw);
#declare Letters = object { Raw translate -(Low + High) / 2 * <1, 1, 0> }\n`;

const side = (d: Dice, least: number, most: number) => d.between(least, most) * d.pick([-1, 1]);

/** A painted board seen from the side. */
export function signFromSide(d: Dice, l: Lettering): Scene {
  const [ink, ground] = paints(d);
  const width = l.widthEm;
  const numbers = [
    camera(d, width, side(d, 32, 58), side(d, 0, 16)),
    lights(d, [10, 55]),
    stuff(d, ground),
    stuff(d, ink),
    bumps(d),
  ] as const;
  const [own, other] = [finish(d), finish(d)];
  const [marginX, marginY, far] = [d.between(0.3, 1.4), d.between(0.25, 0.9), d.between(0.4, 5)];
  const wall = stuff(d, d.pick(PAINTS));
  return (isMask) => `${HEAD}${numbers[0]}${isMask ? "" : numbers[1]}${textObject(l, 0.012)}
object { Letters translate -0.01*z texture { ${isMask ? MASK.ink : `${numbers[3]} ${own}`} } }
#declare S = (High - Low) / 2;
box { <-S.x - ${number(marginX)}, -S.y - ${number(marginY)}, 0.001>, <S.x + ${number(marginX)}, S.y + ${number(marginY)}, 0.1> texture { ${isMask ? MASK.other : `${numbers[2]} ${numbers[4]} ${other}`} } }
plane { -z, ${number(-far)} texture { ${isMask ? MASK.other : `${wall} finish { ambient 0.05 diffuse 0.7 }`} } }`;
}

/** Letters that stand out of a wall of the same stuff, or nearly; their shadows fall on it. */
export function raised(d: Dice, l: Lettering): Scene {
  const ground = d.pick(PAINTS);
  const own = d.between(0, 1) < 0.6 ? ground : ground.map((c) => Math.min(1, c * d.between(0.75, 1.35)));
  const wall = stuff(d, ground);
  const face = own === ground ? wall : stuff(d, own);
  const rough = bumps(d);
  const [how, see, lit, depth] = [
    finish(d),
    camera(d, l.widthEm, side(d, 0, 22), side(d, 0, 14)),
    lights(d, [30, 68], false),
    d.between(0.06, 0.3),
  ];
  return (isMask) => `${HEAD}${see}${isMask ? "" : lit}${textObject(l, depth)}
object { Letters translate ${number(-depth)}*z texture { ${isMask ? MASK.ink : `${face} ${rough} ${how}`} } }
plane { -z, 0 texture { ${isMask ? MASK.other : `${wall} ${rough} ${how}`} } }`;
}

/** Letters cut or pressed into a surface. */
export function pressed(d: Dice, l: Lettering): Scene {
  const ground = d.pick(PAINTS.filter((p) => Math.max(...p) > 0.25));
  const [wall, rough, how, depth] = [stuff(d, ground), bumps(d), finish(d), d.between(0.035, 0.13)];
  const [see, lit] = [camera(d, l.widthEm, side(d, 0, 25), side(d, 0, 16)), lights(d, [35, 70], false)];
  return (isMask) => `${HEAD}${see}${isMask ? "" : lit}${textObject(l, depth + 0.1)}
${isMask ? `object { Letters translate -0.1*z texture { ${MASK.ink} } } plane { -z, 0 texture { ${MASK.other} } }` : `difference { box { <-40, -40, 0>, <40, 40, 1> } object { Letters translate -0.1*z } texture { ${wall} ${rough} ${how} } }`}`;
}

/** A mug one unit thick with a picture around it, a wrap of the whole, of which lettering takes an arc. @param masked - the same, white on black. */
export function mug(
  d: Dice,
  wrap: string,
  masked: string,
  height: number,
  arcDeg: number,
  ground: readonly number[],
): Scene {
  const radius = 1;
  // All of the lettering can be seen, and the handle stands beside it.
  const turn = d.between(-1, 1) * Math.max(0, Math.min(22, 66 - arcDeg / 2));
  const pitch = d.between(2, 26);
  const angle = d.between(22, 42);
  const far = (height * d.between(0.75, 1.15)) / Math.tan((angle * Math.PI) / 360);
  const p = (pitch * Math.PI) / 180;
  const see = `camera { location ${xyz(0, Math.sin(p) * far + height / 2, -Math.cos(p) * far)} right x*image_width/image_height look_at ${xyz(d.between(-0.15, 0.15), height * d.between(0.42, 0.55), 0)} angle ${number(angle)} rotate ${xyz(0, 0, d.between(-3, 3))} }\n`;
  const [lit, shine, table, room] = [
    lights(d, [20, 65]),
    `finish { ambient 0.08 diffuse 0.75 specular ${number(d.between(0.2, 0.8))} roughness ${number(d.between(0.008, 0.05))} reflection ${number(d.pick([0, 0.04, 0.1]))} }`,
    stuff(d, d.pick(PAINTS)),
    d.pick(PAINTS),
  ];
  const handle = 90 + d.pick([-1, 1]) * (arcDeg / 2 + Math.abs(turn) + d.between(40, 60));
  const map = (file: string) => `image_map { png "${file}" map_type 2 interpolate 2 }`;
  return (isMask) => `${HEAD}${see}${isMask ? "" : lit}background { ${isMask ? "rgb 0" : rgb(room)} }
#declare Print = texture { pigment { ${map(isMask ? masked : wrap)} scale <1, ${number(height)}, 1> rotate ${xyz(0, turn - 90, 0)} } ${isMask ? "finish { ambient 0 diffuse 0 emission 1 }" : shine} }
difference { cylinder { 0, ${xyz(0, height, 0)}, ${radius} } cylinder { 0.08*y, ${xyz(0, height + 0.1, 0)}, ${radius - 0.06} }
texture { Print } }
torus { ${number(height * 0.27)}, 0.1 rotate 90*x translate ${xyz(radius, height / 2, 0)} rotate ${xyz(0, handle, 0)} texture { ${isMask ? MASK.other : `pigment { ${rgb(ground)} } ${shine}`} } }
plane { y, 0 texture { ${isMask ? MASK.other : `${table} finish { ambient 0.05 diffuse 0.7 reflection 0.05 }`} } }`;
}

/** Cloth that falls in folds: a mesh over which the picture is laid. */
export function cloth(d: Dice, width: number, picture: string, masked: string): Scene {
  const [across, down] = [90, 36];
  const [w, h] = [width * 1.35, 2.6];
  const folds = Array.from({ length: 6 }, () => [d.between(0.2, 1.1) * 2 * Math.PI / 1.6, d.between(-0.35, 0.35) * 2 * Math.PI / 1.6, d.between(0, 6.3), d.between(0.02, 0.09)] as const); // oxfmt-ignore
  const at = (i: number, j: number) => {
    const [x, y] = [(i / across - 0.5) * w, (j / down - 0.5) * h];
    const z = folds.reduce((s, [fx, fy, phase, far]) => s + far * Math.sin(fx * x + fy * y + phase), 0);
    return [x + 0.3 * z, y + 0.1 * z, z] as const;
  };
  const points: string[] = [];
  const uv: string[] = [];
  const faces: string[] = [];
  for (let j = 0; j <= down; j++)
    for (let i = 0; i <= across; i++) {
      points.push(xyz(...at(i, j)));
      uv.push(`<${number(i / across)}, ${number(j / down)}>`);
      if (i === across || j === down) continue;
      const k = j * (across + 1) + i;
      faces.push(`<${k}, ${k + 1}, ${k + across + 1}>`, `<${k + 1}, ${k + across + 2}, ${k + across + 1}>`);
    }
  const list = (name: string, items: string[]) => `${name} { ${items.length}, ${items.join(", ")} }`;
  const normals: string[] = [];
  for (let j = 0; j <= down; j++)
    for (let i = 0; i <= across; i++) {
      const [a, b] = [at(i - 0.5, j), at(i + 0.5, j)];
      const [p, q] = [at(i, j - 0.5), at(i, j + 0.5)];
      const [u, v] = [b.map((c, k) => c - a[k]!), q.map((c, k) => c - p[k]!)] as [number[], number[]];
      const n = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
      normals.push(xyz(...n.map((c) => -c)));
    }
  const mesh = `mesh2 { ${list("vertex_vectors", points)} ${list("normal_vectors", normals)} ${list("uv_vectors", uv)} ${list("face_indices", faces)} uv_mapping`;
  const see = camera(d, width, side(d, 0, 20), side(d, 0, 15));
  const lit = lights(d, [25, 62]);
  const weave = d.pick(["", `normal { bumps ${number(d.between(0.1, 0.5))} scale 0.015 }`]);
  return (isMask) => `${HEAD}${see}${isMask ? "" : lit}background { rgb ${isMask ? 0 : number(d.between(0.1, 0.7))} }
${mesh} texture { pigment { image_map { png "${isMask ? masked : picture}" interpolate 2 } } ${isMask ? "finish { ambient 0 diffuse 0 emission 1 }" : `${weave} finish { ambient 0.08 diffuse 0.8 }`} } }`;
}

/** Letters of light before a wall, or dark letters with lamps behind them. @param lamps - places within the letters, in em from their middle. */
export function glowing(d: Dice, l: Lettering, lamps: [number, number][]): Scene {
  const isBacklit = d.between(0, 1) < 0.5;
  const tint = d.pick([[1, 0.35, 0.25], [0.3, 0.8, 1], [1, 0.85, 0.5], [0.9, 0.3, 1], [0.4, 1, 0.5], [1, 1, 0.95], [1, 0.6, 0.15]]); // oxfmt-ignore
  const wall = stuff(d, d.pick(PAINTS));
  const bricks = d.pick([
    "",
    "",
    `pigment { brick rgb 0.25, rgb <0.45, 0.22, 0.15> brick_size <0.8, 0.26, 0.4> mortar 0.03 }`,
  ]);
  const [see, room, off] = [
    camera(d, l.widthEm, side(d, 0, 20), side(d, 0, 12)),
    d.between(0.02, 0.25),
    d.between(0.12, 0.3),
  ];
  const face = d.pick(PAINTS).map((c) => c * 0.5);
  const power = d.between(0.5, 1.1) / Math.sqrt(lamps.length);
  const lit = lamps
    .map(
      ([x, y]) =>
        `light_source { ${xyz(x, y, isBacklit ? -off * 0.5 : -off)} ${rgb(tint)} * ${number(power)} fade_distance ${number(off)} fade_power 2 ${isBacklit ? "" : "shadowless"} }`,
    )
    .join("\n");
  const own = isBacklit
    ? `pigment { ${rgb(face)} } finish { ambient 0.3 diffuse 0.6 }`
    : `pigment { ${rgb(tint.map((c) => 0.4 + 0.6 * c))} } finish { ambient 0 diffuse 0 emission 1 }`;
  return (
    isMask,
  ) => `${HEAD}${see}${isMask ? "" : `${lit}\nlight_source { <4, 9, -14> rgb ${number(room)} shadowless }\n`}${textObject(l, 0.06)}
object { Letters translate ${number(-off - 0.06)}*z ${isBacklit ? "" : "no_shadow"} texture { ${isMask ? MASK.ink : own} } }
plane { -z, 0 texture { ${isMask ? MASK.other : `${bricks || wall} finish { ambient 0.05 diffuse 0.8 }`} } }`;
}

/** Things on a table: what a busy picture shows behind its lettering. */
export function busyGround(d: Dice): string {
  const things = Array.from({ length: Math.round(d.between(15, 60)) }, () => {
    const at = xyz(d.between(-9, 9), d.between(-5, 5), d.between(0, 9));
    const own = `texture { ${stuff(d, d.pick(PAINTS))} ${bumps(d)} ${finish(d)} }`;
    const size = d.between(0.2, 1.9);
    return d.pick([
      `sphere { ${at}, ${number(size)} ${own} }`,
      `box { -1, 1 scale ${xyz(size, size * d.between(0.2, 2), size)} rotate ${xyz(d.between(0, 90), d.between(0, 90), 0)} translate ${at} ${own} }`,
      `cylinder { -y, y, 0.5 scale ${number(size)} rotate ${xyz(d.between(0, 180), 0, d.between(0, 180))} translate ${at} ${own} }`,
    ]);
  });
  return `${HEAD}camera { location <0, 1, -14> right x*image_width/image_height look_at 0 angle 55 }\n${lights(d, [20, 60])}${things.join("\n")}
plane { y, -5 texture { ${stuff(d, d.pick(PAINTS))} ${finish(d)} } }\nbackground { ${rgb(d.pick(PAINTS))} }`;
}
