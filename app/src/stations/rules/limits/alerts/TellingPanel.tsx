import { useState } from 'react';
import { notificationState, setTelling, tell, useTelling } from '../../../../links/tellHere.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';

/** How this browser tells an alert beside showing it, and a test of that. */
export function TellingPanel() {
  const telling = useTelling();
  const [said, setSaid] = useState<string | null>(null);
  const choose = async (notification: boolean) => {
    if (notification && notificationState() === 'default') await Notification.requestPermission();
    const state = notificationState();
    setTelling({ ...telling, notification: notification && state === 'granted' });
    setSaid(
      notification && state !== 'granted'
        ? state === 'none'
          ? 'This browser shows no notifications.'
          : 'This browser does not allow notifications from this page. Allow them in its settings for this address, then tick again.'
        : null,
    );
  };
  const test = () => {
    const { notified, sounded } = tell('A test of your alerts: nothing is wrong.');
    const done = [...(notified ? ['a notification'] : []), ...(sounded ? ['a tone'] : [])];
    setSaid(
      done.length === 0
        ? 'Nothing is chosen: alerts are only shown here and written into the log.'
        : `Sent: ${done.join(' and ')}. If you saw or heard nothing, look at the settings of this browser and its volume.`,
    );
  };
  return (
    <section aria-label="How they are told" className="mt-4 border-t border-rule pt-3">
      <h2>How they are told by this browser</h2>
      <div className="mt-1.5 flex flex-wrap items-center gap-x-6 gap-y-2">
        <Check checked={telling.notification} onChange={(on) => void choose(on)}>
          by a notification
        </Check>
        <Check checked={telling.sound} onChange={(sound) => setTelling({ ...telling, sound })}>
          by a tone
        </Check>
        <Button onClick={test}>Send a test</Button>
      </div>
      <p className="mt-1 max-w-[70ch] text-[14px] text-soft">
        {said ??
          'Only while this page is open, in any tab. A board that waters does not need it; a plant that only you water does.'}
      </p>
    </section>
  );
}
