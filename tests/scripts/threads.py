import threading, time
done = 0
lock = threading.Lock()
def work(n):
    global done
    for _ in range(n):
        with lock:
            done += 1
def wait(ts):
    for t in ts:
        t.join()
ts = [threading.Thread(target=work, args=(50,)) for _ in range(3)]
for t in ts: t.start()
wait(ts)
print(done)
