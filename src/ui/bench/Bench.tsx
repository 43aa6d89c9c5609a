import type { ComponentType } from 'react';
import type { Notation } from '../../core/measure/units';
import styles from './Bench.module.css';
import { CodesTool } from './CodesTool';
import { IdsTool } from './IdsTool';
import { LampTool } from './LampTool';
import { PressureTool } from './PressureTool';
import { SizesTool } from './SizesTool';
import { UnitsTool } from './UnitsTool';
import { VinTool } from './VinTool';

const tools: { name: string; label: string; Show: ComponentType<{ search: string; units: Notation }> }[] = [
  { name: 'pressure', label: 'Pressure', Show: PressureTool },
  { name: 'lamp', label: 'Lamp', Show: LampTool },
  { name: 'units', label: 'Units', Show: UnitsTool },
  { name: 'sizes', label: 'Tire sizes', Show: SizesTool },
  { name: 'ids', label: 'IDs', Show: IdsTool },
  { name: 'vin', label: 'VIN', Show: VinTool },
  { name: 'codes', label: 'Codes', Show: CodesTool },
];

/** The arithmetic of the trade, without a job. Each tool is an address of its own. */
export function Bench({ search, units }: { search: string; units: Notation }) {
  const asked = new URLSearchParams(search).get('tool');
  const tool = tools.find(({ name }) => name === asked) ?? tools[0];
  if (!tool) return null;
  return (
    <main className={styles.bench}>
      <h1>Bench</h1>
      <nav className={styles.tools} aria-label="Tools of the bench">
        {tools.map(({ name, label }) => (
          <a key={name} href={`/bench?tool=${name}`} aria-current={name === tool.name ? 'page' : undefined}>
            {label}
          </a>
        ))}
      </nav>
      <tool.Show search={search} units={units} />
    </main>
  );
}
