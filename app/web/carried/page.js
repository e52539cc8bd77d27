// The page of a dashboard that was carried away: what a server would answer is answered beside it.
import './door.js';
import '/js/read.js';
