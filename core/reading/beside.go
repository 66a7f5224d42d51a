package reading

import "sync"

// beside calls f for 0 up to n, each beside the others, and returns when all are
// done. A panic in one is the caller's, as if it had called f itself.
func beside(n int, f func(i int)) {
	var all sync.WaitGroup
	var once sync.Once
	var broken any
	for i := range n {
		all.Go(func() {
			defer func() {
				if r := recover(); r != nil {
					once.Do(func() { broken = r })
				}
			}()
			f(i)
		})
	}
	all.Wait()
	if broken != nil {
		panic(broken)
	}
}
