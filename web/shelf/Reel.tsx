/** Filament on its reel, seen from the side: as wide a ring as is left of it. */
export function Reel({
  share,
  color = '#a89c8f',
  size = 40,
  label,
}: {
  share: number
  color?: string | undefined
  size?: number
  label: string
}) {
  const [hub, full] = [30, 92]
  // What is left is an area, so its edge goes with the root.
  const edge = Math.sqrt(hub ** 2 + Math.max(0, Math.min(1, share)) * (full ** 2 - hub ** 2))
  return (
    <svg role="img" aria-label={label} width={size} height={size} viewBox="-100 -100 200 200" className="shrink-0">
      <circle r={98} className="fill-sunk stroke-strong" strokeWidth={size > 60 ? 2 : 4} />
      {edge > hub && <circle r={(hub + edge) / 2} fill="none" stroke={color} strokeWidth={edge - hub} />}
      {size > 60 &&
        Array.from({ length: Math.floor((edge - hub) / 7) }, (_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: windings have no identity.
          <circle key={i} r={hub + 7 * (i + 1)} fill="none" className="stroke-ground" strokeOpacity={0.25} strokeWidth={1} />
        ))}
      <circle r={hub} className="fill-raised stroke-strong" strokeWidth={size > 60 ? 2 : 4} />
      <circle r={12} className="fill-ground stroke-strong" strokeWidth={size > 60 ? 2 : 4} />
    </svg>
  )
}
