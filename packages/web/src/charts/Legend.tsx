const border = (dash?: string): string => (!dash ? 'solid' : dash.startsWith('2') || dash.startsWith('1') ? 'dotted' : 'dashed');

/** Names of traces with their colour and dash. */
export function Legend({ traces }: { traces: readonly { name: string; color: string; dash?: string }[] }) {
  return (
    <div className="legend">
      {traces.map((t) => (
        <span key={t.name + t.dash}>
          <i style={{ borderColor: t.color, borderTopStyle: border(t.dash) as 'solid' }} />
          {t.name}
        </span>
      ))}
    </div>
  );
}
