/** The layout engine in a worker of its own: it takes over the messages of the thread that it is loaded in. */
import 'elkjs/lib/elk-worker.min.js';
