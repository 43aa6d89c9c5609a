import { useRef } from 'react';
import { Button } from './Button';

interface FileButtonProps {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button that takes a file. */
export function FileButton({ label, accept, onFile }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) onFile(chosen);
          event.target.value = '';
        }}
      />
      <Button onClick={() => input.current?.click()}>{label}</Button>
    </>
  );
}

interface FilePickProps {
  label: string;
  /** A JSON document and the name of its file; or why the file is none. */
  onDocument: (document: unknown, name: string) => void;
  onProblem: (sentence: string) => void;
}

/** A button that takes in a JSON file. */
export function FilePick({ label, onDocument, onProblem }: FilePickProps) {
  const take = async (file: File) => {
    let document: unknown;
    try {
      document = JSON.parse(await file.text());
    } catch {
      return onProblem(`${file.name} is not JSON, so nothing was imported. Choose another file.`);
    }
    onDocument(document, file.name);
  };
  return <FileButton label={label} accept=".json,application/json" onFile={(file) => void take(file)} />;
}
