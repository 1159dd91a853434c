/** The outline of a shape as a sign. */
export const ShapeSign = ({ d }: { d: string }) => (
  <svg
    width="20"
    height="20"
    viewBox="-10 -10 20 20"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.4"
    strokeLinejoin="round"
    aria-hidden
  >
    <path d={d} />
  </svg>
)
