'use client';

export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main style={{ maxWidth: 520, margin: '18vh auto', padding: '0 24px' }}>
      <h1>This page broke</h1>
      <p style={{ margin: '12px 0 20px' }}>
        {error.message || 'Something unexpected happened.'} Everything that was saved is safe.
      </p>
      <button onClick={reset}>Try again</button>
    </main>
  );
}
