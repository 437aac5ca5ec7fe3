import Link from 'next/link';
import styles from './Trouble.module.css';

/** A page in the place of one that cannot be shown: what is wrong, and the way back. */
export function Trouble({ title, sentence }: { title: string; sentence: string }) {
  return (
    <main className={styles.trouble}>
      <h1>{title}</h1>
      <p>{sentence}</p>
      <p>
        <Link href="/">All designs</Link>
      </p>
    </main>
  );
}
