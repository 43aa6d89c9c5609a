import { useRef } from 'react';
import { Button } from './Button';

interface FilePickProps {
  label: string;
  /** A JSON document and the name of its file; or why the file is none. */
  onDocument: (document: unknown, name: string) => void;
  onProblem: (sentence: string) => void;
}

/** A button that takes in a JSON file. */
export function FilePick({ label, onDocument, onProblem }: FilePickProps) {
  const input = useRef<HTMLInputElement>(null);
  const take = async (file: File) => {
    let document: unknown;
    try {
      document = JSON.parse(await file.text());
    } catch {
      return onProblem(`${file.name} is not JSON, so nothing was imported. Choose another file.`);
    }
    onDocument(document, file.name);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label={label}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) void take(chosen);
          event.target.value = '';
        }}
      />
      <Button onClick={() => input.current?.click()}>{label}</Button>
    </>
  );
}
