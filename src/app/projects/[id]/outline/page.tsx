import { OutlinePlace } from '@/ui/outline/OutlinePlace';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <OutlinePlace id={(await params).id} />;
}
