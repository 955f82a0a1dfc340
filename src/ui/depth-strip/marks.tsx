/** Room above the section for words, pixels. */
export const TOP = 24;

/** What has been cut away is drawn with this, and nothing is drawn over the words above. */
export function Marks({ width, height }: { width: number; height: number }) {
  return (
    <defs>
      <pattern id="away" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--hatch)" strokeWidth="1.2" />
      </pattern>
      <clipPath id="strip">
        <rect x={0} y={TOP - 2} width={width} height={height - TOP + 2} />
      </clipPath>
    </defs>
  );
}
