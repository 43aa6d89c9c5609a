import { useEffect, useState } from 'react';
import type { ChainShops } from '../../../contract/chain';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { DataTable } from '../../kit/DataTable';
import { Notice } from '../../kit/Notice';
import styles from './Chain.module.css';

/** The shops of the chain side by side, and the way into each: to read, never to change. */
export function Chain({ looking }: { looking: string | undefined }) {
  const [found, setFound] = useState<ChainShops>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void ask('chainShops', { query: {} }).then((answer) => {
      if (answer.ok) setFound(answer.value);
      else setProblem(answer.problem.message);
    });
  }, []);
  const look = async (shop: string | null) => {
    const looked = await ask('lookInto', { body: { shop } });
    if (!looked.ok) return setProblem(looked.problem.message);
    window.location.assign(shop === null ? '/chain' : '/');
  };
  return (
    <main className={styles.chain}>
      <h1>Shops of the chain</h1>
      <p>Each sees its own. From here you look into them: everything can be read, nothing is changed.</p>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!found && !problem && <p role="status">Counting…</p>}
      {found?.shops.length === 0 && (
        <p>No other shop is in this database yet. One is started with HACIENDA_SHOP and its name.</p>
      )}
      {found && found.shops.length > 0 && (
        <DataTable table={{ ...found.table, title: 'The last 13 weeks' }} empty="" />
      )}
      <div className={styles.shops}>
        {found?.shops.map((shop) => (
          <Button key={shop} disabled={shop === looking} onClick={() => void look(shop)}>
            Look into {shop}
          </Button>
        ))}
        {looking && (
          <Button weight="main" onClick={() => void look(null)}>
            Back to our own
          </Button>
        )}
      </div>
    </main>
  );
}
