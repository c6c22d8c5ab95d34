/** Where the client begins. The router sets its own way of fetching parts as it begins; ours takes its place before the first is needed. */
import 'expo-router/entry';
import './src/data/parts';
