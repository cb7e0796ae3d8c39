import 'rapidoc';
