'use client';
import { useEditor } from '../store';
import { CalloutDetails } from './CalloutDetails';
import { ClipDetails } from './ClipDetails';
import { FramingDetails } from './FramingDetails';
import { PointerDetails } from './PointerDetails';
import { LaneDetails } from './LaneDetails';
import { LayoutDetails } from './LayoutDetails';
import { MarkerDetails } from './MarkerDetails';
import { PathDetails } from './PathDetails';
import { PlanDetails } from './PlanDetails';
import { PrivateDetails } from './PrivateDetails';
import { PresenterDetails } from './PresenterDetails';
import { ProjectDetails } from './ProjectDetails';
import { SeveralDetails } from './SeveralDetails';
import { SuggestedLayouts } from './SuggestedLayouts';
import { StepDetails } from './StepDetails';
import { selectedItems } from '../timeline/selecting';

/** Settings of what is selected, or of all that is; of the project where nothing is. */
export function DetailsPanel() {
  const selection = useEditor((s) => s.selection);
  const several = useEditor((s) => selectedItems(s).length > 1);
  if (several) return <SeveralDetails />;
  switch (selection?.kind) {
    case 'clip':
      return <ClipDetails id={selection.id} />;
    case 'framings':
      return <FramingDetails id={selection.id} />;
    case 'layouts':
      return <LayoutDetails id={selection.id} />;
    case 'pointer':
      return <PointerDetails id={selection.id} />;
    case 'callouts':
      return <CalloutDetails id={selection.id} />;
    case 'step':
      return <StepDetails id={selection.id} />;
    case 'marker':
      return <MarkerDetails id={selection.id} />;
    case 'lane':
      return <LaneDetails id={selection.id} />;
    case 'presenter':
      return <PresenterDetails />;
    case 'path':
      return <PathDetails footageId={selection.footageId} />;
    case 'private':
      return <PrivateDetails key={selection.footageId} footageId={selection.footageId} />;
    case 'suggestions':
      return <SuggestedLayouts />;
    case 'plan':
      return <PlanDetails />;
    default:
      return <ProjectDetails />;
  }
}
