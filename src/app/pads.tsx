export { PadsScreen as default } from '@/ui/pads/PadsScreen';
