/** Where the client begins: before the router, so that every part of it is fetched in our way. */
import '@expo/metro-runtime';
import './src/data/parts';
import 'expo-router/entry';
