/** The sign of Knot Path: a line that loops once and goes on. */
export function Mark() {
  return (
    <svg width="28" height="20" viewBox="0 0 28 20" aria-hidden="true">
      <path
        d="M2 16.5C7 16.5 8.5 3.5 14.5 3.800C20.5 4.2 19.8 13 14.2 13.400C9.8 13.7 8.6 9.8 11 7.400L18.5 15.200C20.5 17.3 23 16.6 26 16.6"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.2"
        strokeLinecap="round"
      />
    </svg>
  );
}
