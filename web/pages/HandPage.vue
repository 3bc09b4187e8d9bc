<template>
  <h1>Hand</h1>
</template>
