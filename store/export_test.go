package store

// Classify is classify, for the tests outside.
var Classify = classify
