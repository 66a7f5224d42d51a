package advice

import (
	"patientladder/core/ahead"
	"patientladder/core/climb"
)

// A Way is a student's standing with the path that follows from it and the head starts
// on it: what advice is given from.
type Way struct {
	climb.Student
	climb.Path
	Ahead []ahead.HeadStart
	Age   int
}

// Reckon works out a student's way at an age.
func Reckon(st climb.Student, age int) Way {
	path := climb.Reckon(st)
	return Way{st, path, ahead.Plan(st.Standing, st.Graph, path, st.Approach.HeadStarts(), st.Now), age}
}
