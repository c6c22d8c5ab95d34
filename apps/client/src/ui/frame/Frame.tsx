/** The frame around every screen: areas, top line, live strip; and its change when anything is sent. */
import { usePathname } from 'expo-router';
import { useEffect, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { useHot } from '@/data/live';
import { undoByKey } from '@/data/show';
import { keysAllTaken } from '../listRange';
import { useColour } from '../theme';
import { useWide } from '../wide';
import { AreaBar } from './AreaBar';
import { DoneBar } from './DoneBar';
import { Jump } from './Jump';
import { LiveStrip } from './LiveStrip';
import { OnItsWay } from './OnItsWay';
import { PracticeBar } from './PracticeBar';
import { TopLine } from './TopLine';
import { WhoIsHere } from './WhoIsHere';

interface Props {
  /** On a wide screen: the list beside the page */
  list: ReactNode;
  /** Ways on in this area */
  tools: ReactNode;
  /** The stack of pages */
  children: ReactNode;
}

/** Ctrl or Cmd with Z, Shift+Z or Y. */
function undoKey({ ctrlKey, metaKey, shiftKey, altKey, key }: KeyboardEvent): 'undo' | 'redo' | undefined {
  if (altKey || !(ctrlKey || metaKey)) return undefined;
  if (key.toLowerCase() === 'z') return shiftKey ? 'redo' : 'undo';
  return key.toLowerCase() === 'y' && !shiftKey ? 'redo' : undefined;
}

export function Frame({ list, tools, children }: Props) {
  const wide = useWide();
  const colour = useColour();
  const hot = useHot();
  const [jumping, setJumping] = useState(false);
  const path = usePathname();

  useEffect(() => setJumping(false), [path]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = keysAllTaken(event.target);
      const way = undoKey(event);
      if (event.key === '/' && !typing) {
        event.preventDefault();
        setJumping(true);
      } else if (event.key === 'Escape') setJumping(false);
      else if (way && !typing) {
        event.preventDefault();
        void undoByKey(way);
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);

  // Hot: diagonal bars all around, so that it is seen from the corner of an eye.
  const bars: object = hot
    ? {
        padding: 8,
        backgroundImage: `repeating-linear-gradient(135deg, ${colour('hot')} 0 10px, ${colour('ground')} 10px 20px)`,
      }
    : {};
  return (
    <View testID={hot ? 'frame-hot' : 'frame-safe'} className="flex-1 bg-ground" style={bars}>
      <View className="flex-1 bg-ground">
        <View className="flex-1 flex-row">
          {wide && <AreaBar upright />}
          <View className="flex-1">
            <TopLine onJump={() => setJumping(true)} />
            <OnItsWay />
            <View role="main" className="flex-1 flex-row">
              {list}
              <View className="flex-1">
                {tools}
                <View className="flex-1">{children}</View>
              </View>
            </View>
          </View>
        </View>
        <DoneBar />
        <PracticeBar />
        <LiveStrip />
        {!wide && <AreaBar />}
        {jumping && <Jump onClose={() => setJumping(false)} />}
        <WhoIsHere />
      </View>
    </View>
  );
}
