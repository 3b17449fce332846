export { SoundsScreen as default } from '@/ui/sounds/SoundsScreen';
