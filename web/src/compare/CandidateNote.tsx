import { TextField } from "../job/TextField";

type Props = { letter: string; note: string; onChange: (note: string) => void };

export function CandidateNote({ letter, note, onChange }: Props) {
  return (
    <TextField
      label={`Note on ${letter}`}
      className="text-small"
      value={note}
      maxLength={400}
      placeholder="what speaks for it"
      onChange={onChange}
    />
  );
}
