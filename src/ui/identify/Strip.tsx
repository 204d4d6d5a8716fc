"use client";
// The straightened line with the face laid over it, the cut letters below in step, a line under each for how far it disagrees.
import type { Identification, IdentifyMatch } from "@/contracts/identify";

type Props = { result: Identification; match: IdentifyMatch; lay: number; onLay: (lay: number) => void };

export function Strip({ result, match, lay, onLay }: Props) {
  const { strip, reading } = result;
  const { widthPx: w, heightPx: h } = strip;
  const shown = match.overlay;
  const letters = match.letters;
  const boxes = reading.letters.length === letters.length ? reading.letters.map((l) => l.box) : null;
  return (
    <section aria-label="The line and the face laid over it">
      <svg
        viewBox={`0 0 ${w} ${h + 22}`}
        className="block max-h-[210px] w-full bg-[#fbf9f4]"
        role="img"
        aria-label={`${match.family} ${match.style} laid over the picture`}
      >
        <image
          href={strip.png}
          width={w}
          height={h}
          opacity={Math.min(1, 2 - lay / 50)}
          style={{ imageRendering: "auto" }}
        />
        <g style={{ mixBlendMode: "multiply" }}>
          <path d={shown.path} fill="#a8431a" fillRule="nonzero" opacity={Math.min(1, lay / 50) * 0.75} />
        </g>
        {boxes?.map((b, i) => (
          <line
            key={i}
            x1={b.x - 0.5}
            x2={b.x - 0.5}
            y1={0}
            y2={h}
            stroke="#a8431a"
            strokeWidth={0.6}
            strokeDasharray="2 2"
          />
        ))}
        {boxes?.map((b, i) => {
          const off = 1 - (letters[i]?.agreement ?? 0);
          return (
            <g key={i}>
              <text
                x={b.x + b.width / 2}
                y={h + 10}
                textAnchor="middle"
                fontSize={10}
                fill="#20262b"
                fontFamily="var(--font-sans)"
              >
                {letters[i]?.char}
              </text>
              <rect x={b.x} y={h + 14} width={b.width} height={1 + off * 14} fill={off > 0.3 ? "#8a5f00" : "#1c6b74"}>
                <title>{`${letters[i]?.char}: agreement ${(1 - off).toFixed(2)}`}</title>
              </rect>
            </g>
          );
        })}
      </svg>
      <div className="mt-2 flex items-center gap-3">
        <span className="text-basalt">picture</span>
        <input
          type="range"
          min={0}
          max={100}
          value={lay}
          aria-label="From picture to face"
          className="flex-1"
          onChange={(e) => onLay(Number(e.target.value))}
        />
        <span className="text-basalt">face</span>
      </div>
      <p className="mt-1.5">
        Read as <b>{reading.text}</b>
        {reading.given
          ? ""
          : ` (by machine, ${Math.round(reading.confidence * 100)} % sure: correct it above where it is wrong)`}
        .{" "}
        {boxes
          ? "The thicker the line below a letter, the less it agrees with the match in focus."
          : "Its letters touch or could not be cut one by one, so whole words were compared."}
      </p>
      <ul className="num mt-1 flex flex-wrap gap-x-3" aria-label="Agreement of each letter">
        {letters.map((l, i) => (
          <li key={i}>
            {l.char} {l.agreement.toFixed(2)}
          </li>
        ))}
      </ul>
    </section>
  );
}
