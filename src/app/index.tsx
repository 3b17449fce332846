import { Redirect } from 'expo-router';
import { useAppSelector } from '@/store/store';

/** The first visit begins with the page of three ways, every other one with the pads. */
export default function Index() {
  const started = useAppSelector((state) => state.settings.started);
  return <Redirect href={started ? '/pads' : '/start'} />;
}
