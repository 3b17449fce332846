import paths from './iconPaths.json';

/** The icons that ship with the app. `scripts/icons.mjs` says how one is added. */
export type IconName = keyof typeof paths;

interface Props {
  name: string;
  /** px */
  size: number;
  color?: string;
}

/** An icon as an outline in the page: a font of all 7,000 would be half of the first load. For Paper's `settings.icon`, too. */
export function AppIcon({ name, size, color }: Props) {
  const path = (paths as Record<string, string | undefined>)[name];
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" fill={color} aria-hidden style={{ display: 'block' }}>
      {path && <path d={path} />}
    </svg>
  );
}
