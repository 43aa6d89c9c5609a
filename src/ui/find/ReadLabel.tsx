import { useEffect, useRef, useState } from 'react';
import { ask } from '../api';
import type { Frame, Sight } from '../../core/names/label/camera';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './ReadLabel.module.css';

/** Pictures are looked through at this width, px: a code held at arm's length is still ten pixels a module. */
const widthPx = 800;

/** A label read by the camera, or typed: leads to what it is on. Nothing leaves the device but the code. */
export function ReadLabel({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string>();
  const [noCamera, setNoCamera] = useState<string>();
  const video = useRef<HTMLVideoElement>(null);
  const follow = async (code: string): Promise<boolean> => {
    const followed = await ask('followLabel', { query: { code } });
    if (followed.ok) window.location.assign(followed.value.path);
    else setProblem(followed.problem.message);
    return followed.ok;
  };
  useEffect(() => {
    const shown = video.current;
    if (!shown) return undefined;
    return watch(shown, follow, setNoCamera);
  }, []);
  return (
    <Dialog title="Read a label" onClose={onClose}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void follow(typed);
        }}
      >
        {noCamera ? (
          <Notice tone="note">{noCamera}</Notice>
        ) : (
          <>
            {/* What the camera sees has no words to caption. */}
            <video ref={video} className={styles.video} muted playsInline aria-label="What the camera sees" />
            <p>Hold the square of the label in the picture.</p>
          </>
        )}
        <Field
          label="Or type the eight characters beside it"
          figures
          value={typed}
          maxLength={20}
          onValue={(text) => {
            setTyped(text);
            setProblem(undefined);
          }}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div>
          <Button type="submit" disabled={typed.trim().length < 4}>
            Go there
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** Shows the camera and follows the first code that leads somewhere; what is given back ends it. */
function watch(
  video: HTMLVideoElement,
  follow: (code: string) => Promise<boolean>,
  onNoCamera: (why: string) => void,
): () => void {
  let isOver = false;
  let stream: MediaStream | undefined;
  const reader = new Worker(new URL('../../workers/read-code.ts', import.meta.url), { type: 'module' });
  const look = () => {
    const frame = isOver ? undefined : frameOf(video);
    if (frame) reader.postMessage(frame, [frame.data.buffer]);
    else if (!isOver) setTimeout(look, 100);
  };
  let last = '';
  reader.addEventListener('message', ({ data: code }: MessageEvent<Sight>) => {
    if (isOver) return;
    if (code === undefined || code === last) return void setTimeout(look, 50);
    last = code;
    void follow(code).then((led) => {
      if (!led) look();
    });
  });
  const open = async () => {
    // Over plain HTTP, and on old devices, a page has no camera.
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices) return onNoCamera('A page has the camera only over HTTPS. Type the characters instead.');
    try {
      stream = await devices.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1280 } } });
      if (isOver) return stop(stream);
      video.srcObject = stream;
      await video.play();
      look();
    } catch {
      onNoCamera(
        'No camera can be used here: none is there, or it was not allowed. Type the characters instead.',
      );
    }
  };
  void open();
  return () => {
    isOver = true;
    reader.terminate();
    if (stream) stop(stream);
  };
}

const stop = (stream: MediaStream) => stream.getTracks().forEach((track) => track.stop());

/** What is seen now; undefined while the camera has shown nothing. */
function frameOf(video: HTMLVideoElement): Frame | undefined {
  if (video.videoWidth === 0) return undefined;
  const width = Math.min(widthPx, video.videoWidth);
  const height = Math.round((video.videoHeight * width) / video.videoWidth);
  const canvas = new OffscreenCanvas(width, height);
  const brush = canvas.getContext('2d', { willReadFrequently: true });
  brush?.drawImage(video, 0, 0, width, height);
  const picture = brush?.getImageData(0, 0, width, height);
  return picture && { width, height, data: picture.data };
}
