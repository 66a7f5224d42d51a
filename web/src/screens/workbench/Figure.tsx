import type { Schemas } from "../../api/client";
import { length } from "../../parts/units";
import { say } from "../../words/say";

type Props = { fit: Schemas["Fit"]; tile: number };

const wide = 190;
const tall = 150;

// Figure is a player from the side, to scale in centimetres: the numbers are the
// server's, this only draws them.
export function Figure({ fit, tile }: Props) {
  const at = Object.fromEntries(fit.figure.map((p) => [p.name, p]));
  const x = (cm: number) => cm + 85;
  const y = (cm: number) => tall - 8 - cm;
  const { hip, knee, heel, shoulder, elbow, wrist, head } = at;
  if (!hip || !knee || !heel || !shoulder || !elbow || !wrist || !head) return null;
  const seat = hip.y;
  const thick = tile || 3;
  const line = (...points: { x: number; y: number }[]) => points.map((p) => `${x(p.x)},${y(p.y)}`).join(" ");
  return (
    <svg
      viewBox={`0 0 ${wide} ${tall}`}
      role="img"
      aria-label={say("workbench.seatTilesFootrest", {
        length: length(seat),
        tiles: fit.tiles,
        length2: length(fit.platform.best),
      })}
      className="max-h-[52vh] w-full"
    >
      <line x1={0} x2={wide} y1={y(0)} y2={y(0)} className="stroke-soft" strokeWidth={0.8} />
      {/* the bench, its tiles and the footrest */}
      <rect
        x={x(hip.x - 14)}
        width={-hip.x + 14}
        y={y(fit.setting)}
        height={5}
        className="fill-line stroke-ink"
        strokeWidth={0.5}
      />
      {[hip.x - 10, -6].map((leg) => (
        <line
          key={leg}
          x1={x(leg)}
          x2={x(leg)}
          y1={y(fit.setting - 5)}
          y2={y(0)}
          className="stroke-ink"
          strokeWidth={1.6}
        />
      ))}
      {Array.from({ length: fit.tiles }, (_, i) => (
        <rect
          key={`tile${String(i)}`}
          x={x(hip.x - 12)}
          width={-hip.x + 10}
          y={y(fit.setting + (i + 1) * thick) + 0.3}
          height={thick - 0.6}
          className="fill-now stroke-ink"
          strokeWidth={0.4}
        />
      ))}
      {fit.platform.best > 0 && (
        <rect
          x={x(heel.x - 6)}
          width={32}
          y={y(fit.platform.best)}
          height={fit.platform.best}
          className="fill-now-tint stroke-now"
          strokeWidth={0.6}
        />
      )}
      {fit.keyTops > 0 && (
        <>
          <rect
            x={x(wrist.x + 4)}
            width={16}
            y={y(fit.keyTops)}
            height={3}
            className="fill-raised stroke-ink"
            strokeWidth={0.6}
          />
          <rect
            x={x(wrist.x + 32)}
            width={6}
            y={y(fit.keyTops - 3)}
            height={fit.keyTops - 3}
            className="fill-faint stroke-ink"
            strokeWidth={0.6}
          />
          <rect
            x={x(wrist.x + 20)}
            width={18}
            y={y(fit.keyTops + 34)}
            height={37}
            className="fill-faint stroke-ink"
            strokeWidth={0.6}
          />
          <line
            x1={x(elbow.x - 20)}
            x2={x(wrist.x + 4)}
            y1={y(fit.keyTops)}
            y2={y(fit.keyTops)}
            className="stroke-now"
            strokeWidth={0.5}
            strokeDasharray="2 2"
          />
        </>
      )}
      {/* the player */}
      <g fill="none" className="stroke-keep" strokeWidth={4.5} strokeLinecap="round" strokeLinejoin="round">
        <polyline points={line(heel, knee, hip, shoulder, { x: head.x, y: head.y - 14 })} />
        <polyline points={line(heel, { x: heel.x + 16, y: heel.y + 1.5 })} />
        <polyline points={line(shoulder, elbow, wrist)} className="stroke-ink" strokeWidth={3.5} />
      </g>
      <circle cx={x(head.x)} cy={y(head.y - 9)} r={9} className="fill-keep" />
      <g className="fill-ink text-[6px]">
        <text x={2} y={y(seat) + 2}>
          {length(seat)}
        </text>
        <line x1={22} x2={x(hip.x - 14)} y1={y(seat)} y2={y(seat)} className="stroke-soft" strokeWidth={0.3} />
        {fit.platform.best > 0 && (
          <text x={x(heel.x - 4)} y={y(fit.platform.best / 2) + 2}>
            {length(fit.platform.best)}
          </text>
        )}
        {fit.keyTops > 0 && (
          <text x={x(wrist.x + 40)} y={y(fit.keyTops) + 2}>
            {length(fit.keyTops)}
          </text>
        )}
      </g>
    </svg>
  );
}
