// Package shapes is what is asked about shapes: new ones, and the numbers they are made of.
package shapes

// Asked is all of it, by name.
var Asked = shapesAsked
