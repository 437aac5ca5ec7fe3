import Link from 'next/link';

export default function NotFound() {
  return (
    <main style={{ maxWidth: 520, margin: '18vh auto', padding: '0 24px' }}>
      <h1>Nothing at this address</h1>
      <p style={{ margin: '12px 0 20px' }}>
        The design may have been deleted, or the address is mistyped. A deleted design can be brought back from the list
        right after it was deleted.
      </p>
      <Link href="/">All designs</Link>
    </main>
  );
}
