import multiprocessing

made = []
total = 0


def work(n):
    return n * n


def gather():
    global total
    with multiprocessing.get_context("spawn").Pool(2) as pool:
        made.extend(pool.map(work, range(4)))
    total += sum(made)


if __name__ == "__main__":
    gather()
    print(made, total)
