export { StartScreen as default } from '@/ui/start/StartScreen';
