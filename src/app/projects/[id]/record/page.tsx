import { RecordPlace } from '@/ui/record/RecordPlace';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <RecordPlace id={(await params).id} />;
}
