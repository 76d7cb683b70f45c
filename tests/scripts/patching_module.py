def patch():
    import patched_from_outside

    patched_from_outside.speed = 5
    patched_from_outside.doors = 1
    print("patched", patched_from_outside.speed)
