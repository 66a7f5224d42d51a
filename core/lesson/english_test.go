package lesson

import "patientladder/words"

// english are the words in which these tests read plans.
var english = words.In(words.Reader{Language: words.Base})
