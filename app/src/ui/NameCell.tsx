import { useTyped } from './useTyped.ts';

/** A name, as in a table cell: kept on Enter or when left; emptied, the old one stays. */
export function NameCell({
  label,
  value,
  onKeep,
  className = 'field min-h-[32px]! w-[170px] py-0.5!',
}: {
  label: string;
  value: string;
  onKeep: (value: string) => void;
  className?: string;
}) {
  const { typed, type, drop, handOver } = useTyped();
  const keep = () => {
    const name = typed?.trim();
    handOver();
    if (name !== undefined && name !== '' && name !== value) onKeep(name);
  };
  return (
    <input
      aria-label={label}
      className={className}
      maxLength={60}
      value={typed ?? value}
      onChange={(event) => type(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') drop();
      }}
    />
  );
}
