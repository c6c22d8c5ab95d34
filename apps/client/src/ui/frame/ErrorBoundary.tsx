/** Where a screen cannot be shown, the frame stands and says so; what was typed elsewhere and what is taken stay. */
import { Component, type ReactNode } from 'react';
import { View } from 'react-native';
import { Button } from '../Button';
import { Sentence } from '../Sentence';
import { Text } from '../Text';

interface Props {
  /** Another path is another screen, which is tried anew. */
  path: string;
  children: ReactNode;
}

export class ErrorBoundary extends Component<Props, { why: string; at: string }> {
  override state = { why: '', at: '' };

  static getDerivedStateFromError(error: unknown) {
    return { why: error instanceof Error ? error.message : String(error) };
  }

  static getDerivedStateFromProps({ path }: Props, { at }: { at: string }) {
    return at === path ? null : { at: path, why: '' };
  }

  override render() {
    const { why } = this.state;
    if (why === '') return this.props.children;
    return (
      <View className="gap-4 p-4">
        <Sentence>This screen could not be shown.</Sentence>
        <Text>
          The frame goes on listening, and what is taken stays taken. Load the page anew; if the server is away, wait
          until the live strip says that it is back.
        </Text>
        <Text kind="small" selectable>
          {why}
        </Text>
        <Button label="Load the page anew" look="main" onPress={() => location.reload()} />
      </View>
    );
  }
}
