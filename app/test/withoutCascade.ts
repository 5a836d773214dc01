/**
 * What the testing library asks of an element's style, to know whether it is shown, without jsdom's reckoning of every style sheet for it, which
 * took more than half of all time of these tests. Hidden by a class of a sheet nothing of ours is in them: what is not shown is not drawn, or says so itself.
 */
if (typeof window !== 'undefined') window.getComputedStyle = (element) => (element as HTMLElement).style;
