import { useState } from 'react';
import { DEFAULT_REFERENCE } from '../../core/rig';
import { personName, setPersonName } from '../keep/person';
import { CommitNumber } from '../look/commit-number';
import { CommitLines, CommitText } from '../look/commit-text';
import { useDocument, useRig } from '../store/use-rig';

/** Notes of the rig, the reference lead, and the units to read in. */
export function RigSettings() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [name, setName] = useState(personName() ?? '');
  const reference = rig.reference ?? DEFAULT_REFERENCE;
  const field = (label: string, key: 'metres' | 'pfPerMetre' | 'ohms') => (
    <CommitNumber
      label={label}
      value={reference[key]}
      min={0}
      onCommit={(value) =>
        value !== undefined &&
        edit({ edit: 'setReference', reference: { ...reference, [key]: value } })
      }
    />
  );
  return (
    <div className="rig-settings-box">
      <CommitText
        label="Your name, as others see it"
        value={name}
        onCommit={(text = '') => {
          setPersonName(text);
          setName(text);
        }}
      />
      <strong className="small-print">Reference lead for tone</strong>
      {field('Length, m', 'metres')}
      {field('Capacitance, pF per metre', 'pfPerMetre')}
      {field('Into, Ω', 'ohms')}
      <CommitLines
        mt={8}
        label="Notes of the rig"
        minRows={2}
        maxRows={6}
        value={rig.notes}
        onCommit={(notes = '') => edit({ edit: 'setRigNotes', notes })}
      />
    </div>
  );
}
