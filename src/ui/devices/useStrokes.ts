import { useEffect, useRef } from 'react';
import type { ControllerStroke } from '@/instrument/controllers/controllers';
import { useControllers } from './ControllersContext';

/** Calls back with every stroke on a controller, while it is there. It plays as well. */
export function useStrokes(onStroke: (stroke: ControllerStroke) => void): void {
  const controllers = useControllers();
  const latest = useRef(onStroke);
  useEffect(() => {
    latest.current = onStroke;
  });
  useEffect(() => controllers.onStroke((stroke) => latest.current(stroke)), [controllers]);
}
