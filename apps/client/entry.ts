/** Where the client begins; how its parts are fetched is known before the first is asked for. */
import './src/data/parts';
import 'expo-router/entry';
