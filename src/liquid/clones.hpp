#pragma once
// Functions that are compiled for several processors; the one that fits is taken when the program starts.
#if defined(__has_attribute) && defined(__x86_64__) && defined(__linux__) && \
    !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
#if __has_attribute(target_clones) && !defined(__clang__)
#define JAMPOT_CLONES [[gnu::target_clones("avx512f", "avx2", "default")]]
#endif
#endif
#ifndef JAMPOT_CLONES
#define JAMPOT_CLONES
#endif
