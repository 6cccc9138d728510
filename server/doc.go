// Package server answers over HTTP: it joins the core, the store and the front
// end. Questions to the core are plain GETs that need no stored data; one
// request, the map of a chart, brings everything that the Bench and the Atlas
// draw.
package server
